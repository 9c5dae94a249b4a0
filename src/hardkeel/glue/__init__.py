"""Glue: what each kind does and wants, which one for a joint, how much to mix, what a broken coupon says of a batch.

Lives here: kinds with their ranges, the builder's own bottles, the choice, schools of gluing, mixing, batches and coupons.  Does not live
here: steps and timers (schedule), cautions in words (messages).  Imports base.
"""
