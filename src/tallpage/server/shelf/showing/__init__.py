"""What is shown of captures: derived from them, and made again when it is gone."""
