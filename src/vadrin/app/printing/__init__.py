"""The print room: its set-up, its strips, the contact sheet, grades and prints."""
