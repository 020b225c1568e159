"""A verdict on a build-up or joint, its margin, and the smallest changes that would turn it, by month and by hour."""
