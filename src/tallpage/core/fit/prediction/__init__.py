"""What a file would be like, from a sample: curves, forecasts, a first verdict."""
