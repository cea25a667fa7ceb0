"""What a file is like: fidelity, where most was lost, what costs most, why it was chosen."""
