"""What finished batches taught, for the next one."""
