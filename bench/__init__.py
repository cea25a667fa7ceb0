"""What is measured: each module prints its figures; ``python -m bench [NAME …]`` runs them."""
