"""What follows for the whole line: what it carries, strength, flow, hoses, tools, shopping list."""
