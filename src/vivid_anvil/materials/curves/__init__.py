"""S-N curves: forms, families, detail classes, estimates, conversions."""
