"""Files that are opened, imported, kept and taken in, as a person is asked about them."""
