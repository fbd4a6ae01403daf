"""The database as a file: opening, backups, exchange, erasing."""
