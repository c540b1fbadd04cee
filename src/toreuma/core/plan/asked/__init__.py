"""What a plan is asked once it stands: cost, grips, a first piece of something softer."""
