"""From the pot to the sauce: ways, acts, reasons, cautions."""
