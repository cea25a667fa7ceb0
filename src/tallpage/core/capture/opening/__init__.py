"""Getting to the page that was asked for: addresses, sign-ins, steps."""
