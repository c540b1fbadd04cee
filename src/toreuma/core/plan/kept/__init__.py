"""Operations kept as a program had them, and planned anew when asked."""
