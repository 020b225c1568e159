"""The question everything answers: place, climate, rooms, what is asked, the schools in use. Start in `basis`."""
