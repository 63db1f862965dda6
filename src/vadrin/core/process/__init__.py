"""Development time and temperature."""
