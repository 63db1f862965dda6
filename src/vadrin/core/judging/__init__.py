"""What an eye says of film, as numbers with their sureness."""
