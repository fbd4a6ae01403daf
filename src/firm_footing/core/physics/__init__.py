"""What does a delivery of the club do: to the ground, to the ball, to the flight? The physics."""
