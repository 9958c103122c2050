"""Long runs that look for what breaks: not part of the tests, which run a short fixed sample of each."""
