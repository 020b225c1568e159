"""What happens on site: fresh concrete against its forms, lifts of panels, time and order of work."""
