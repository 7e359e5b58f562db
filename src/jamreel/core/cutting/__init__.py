"""What is measured and snipped: net length plus allowances, each by name."""
