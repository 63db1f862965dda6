"""The window: it shows the workbench and passes on what the person does."""
