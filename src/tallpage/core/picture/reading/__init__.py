"""Pictures in: files of ours and from outside, captures as strips."""
