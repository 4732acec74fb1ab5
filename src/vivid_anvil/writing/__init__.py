"""How answers are told: findings, workings, tables in and out."""
