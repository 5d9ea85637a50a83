"""The book of facts, and what moved between two of them."""

import pytest

from kemble.core.facts.fact import FactBook, format_value, leaf, ripple


class TestBook:
    def test_a_fact_names_what_it_came_from(self):
        fact_book = FactBook()
        fact_book.add(
            "mix.batch_g",
            900.0,
            "as weighed",
            source="conservation of mass",
            of=[leaf("sheet:parts.base", "flour", 300, "g")],
        )
        fact_book.add("mix.volume_ml", 720.0, "batch over density", source="geometry", of=["mix.batch_g"])
        origin = fact_book.facts["mix.volume_ml"].because.inputs[0]
        assert (origin.ref, origin.label, origin.value, origin.unit) == (
            "mix.batch_g",
            "batch before cooking",
            900.0,
            "g",
        )

    def test_a_key_outside_the_vocabulary(self):
        with pytest.raises(KeyError):
            FactBook().add("mix.colour", 1.0, "seen", source="x")

    def test_a_station_out_of_order(self):
        with pytest.raises(KeyError):
            FactBook().add("mix.volume_ml", 1.0, "from nothing", source="x", of=["mix.batch_g"])

    def test_a_word_is_no_number(self):
        fact_book = FactBook()
        fact_book.add("shape.short_of", "filling", "the shorter", source="x")
        with pytest.raises(TypeError):
            fact_book.number("shape.short_of")

    def test_shown_as_the_key_says(self):
        assert format_value(5.26, 1) == "5.3"
        assert format_value("filling", 0) == "filling"


class TestRipple:
    def fact_book(self, **values):
        fact_book = FactBook()
        for key, value in values.items():
            fact_book.add(key.replace("_", ".", 1), value, "told", source="x")
        return fact_book.facts

    def test_what_looks_the_same_did_not_move(self):
        assert ripple(self.fact_book(mix_batch_g=900.1), self.fact_book(mix_batch_g=900.4)) == []

    def test_old_and_new_as_numbers(self):
        moved = ripple(
            self.fact_book(mix_batch_g=900.4, mix_fat_pct=6.04), self.fact_book(mix_batch_g=900.6, mix_fat_pct=6.06)
        )
        assert [(change.key, change.old, change.new) for change in moved] == [
            ("mix.batch_g", 900.4, 900.6),
            ("mix.fat_pct", 6.04, 6.06),
        ]

    def test_facts_that_came_and_went(self):
        moved = ripple(self.fact_book(mix_batch_g=900.0), self.fact_book(mix_water_g=400.0))
        assert [(change.key, change.old, change.new) for change in moved] == [
            ("mix.batch_g", 900.0, None),
            ("mix.water_g", None, 400.0),
        ]
