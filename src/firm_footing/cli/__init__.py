"""How is the program called from a shell?"""
