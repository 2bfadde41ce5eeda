"""The rules and arithmetic of finishing a sauce from a braising liquid.

Pure computation: no interface, no database, no clock, no files written. Amounts are grams,
millilitres at 20 °C, millimetres, degrees Celsius and minutes unless a name says otherwise.

A batch is a list of events (:mod:`.events`); :func:`.fold.fold` turns the list into what is in the
pot; :func:`.routes.solve_routes` works out the ways from there to what the cook wants.
"""
