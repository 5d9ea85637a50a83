"""The days of occasions, and the jobs that plan them."""
