"""The shelf and the cupboard: tests found, compared, and started anew; film and kit."""
