"""What pictures of curves are drawn from."""
