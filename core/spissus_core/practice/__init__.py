"""Pots to practise on."""
