"""What does a casebook teach: how common each cause is among these students?"""
