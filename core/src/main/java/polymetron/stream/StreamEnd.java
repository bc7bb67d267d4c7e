package polymetron.stream;

import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedStream;

/** A stream source or sink of a block. */
public record StreamEnd(ElaboratedBlock block, SizedStream form) {
    public InterfaceRef ref() {
        return new InterfaceRef(block.name(), form.name());
    }

    /** Name of its clock domain; null when it is not known yet. */
    public String domain() {
        return block.domain(form.type().clock());
    }
}
