"""What keeps a joint tight: `schedules` of seals in the order of work, `seals` judges them, `walk` goes round."""
