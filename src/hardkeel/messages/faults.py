"""What went wrong, in words: faults carry data, and say the rest in the file's own terms."""

from hardkeel.base.errors import BadInput
from hardkeel.edits.steps import OutOfOrder
from hardkeel.messages.steps import out_of_order


def told(fault: BadInput) -> str:
    """One sentence for the builder, without a full stop."""
    if isinstance(fault, OutOfOrder):
        return out_of_order(fault.step, fault.waits)
    return str(fault)
