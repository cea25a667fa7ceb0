"""The rules of the job: no web framework, no globals, usable from a script."""
