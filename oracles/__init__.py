"""Films and papers of known truth, in closed form: they share no code with what reads them."""
