"""Long studies, run by ``./spissus study``. What they found last stands beside them."""
