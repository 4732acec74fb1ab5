"""From tests to curves and laws."""
