"""What a user can do: load → compute → save, one transaction each. Start at `projects`, then `bench`."""
