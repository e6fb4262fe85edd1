"""What a hold test and a fill say."""
