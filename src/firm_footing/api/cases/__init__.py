"""Case files, in and out."""
