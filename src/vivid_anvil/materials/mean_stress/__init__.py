"""Mean-stress rules, and the sensitivities that they need."""
