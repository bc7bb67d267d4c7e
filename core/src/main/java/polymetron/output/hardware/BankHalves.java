package polymetron.output.hardware;

import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;
import polymetron.verilog.Net;
import polymetron.verilog.Statement;

/**
 * What makes one register of two words: the upper half is kept when the lower one is read, and what is written to the lower half is
 * kept, with its bytes, until the upper one is written. Only what is needed is made.
 */
final class BankHalves {
    private static final int WORD = 32;

    private final Module module;
    private final String name;
    private final Net readsLower;
    private final Net writesLower;
    private final Net writeData;
    private final Net mask;
    private Net upper;
    private Expression seen;
    private Net lower;
    private Net lowerMask;
    private Net writesUpper;

    /**
     * @param name of the lower word
     * @param mask bits of the bytes that are written
     */
    BankHalves(
            Module module, String name, Net readsLower, Net writesLower, Net writeData, Net mask) {
        this.module = module;
        this.name = name;
        this.readsLower = readsLower;
        this.writesLower = writesLower;
        this.writeData = writeData;
        this.mask = mask;
    }

    /**
     * What software reads of the upper half.
     *
     * @param seen what is in it now
     */
    Expression kept(Expression seen) {
        this.seen = seen;
        upper = module.variable(name + "_kept", WORD);
        return upper.read();
    }

    /** Bits of the lower half that are written when the upper one is. */
    Expression writtenMask(BankPart part, Net writesUpper) {
        keepLower(writesUpper);
        int bits = part.wordHigh() - part.wordLow() + 1;
        return lowerMask.bits(part.wordHigh(), part.wordLow()).and(writesUpper.read().repeat(bits));
    }

    Expression writtenData(BankPart part) {
        return lower.bits(part.wordHigh(), part.wordLow());
    }

    private void keepLower(Net writesUpper) {
        if (lower == null) {
            this.writesUpper = writesUpper;
            lower = module.variable(name + "_to_write", WORD);
            lowerMask = module.variable(name + "_bits_to_write", WORD);
        }
    }

    void store(List<Statement> atReset, List<Statement> otherwise) {
        Expression zero = Expression.constant(WORD, 0);
        if (upper != null) {
            atReset.add(Statement.store(upper, zero));
            otherwise.add(Statement.when(readsLower.read(), Statement.store(upper, seen)));
        }
        if (lower != null) {
            atReset.add(Statement.store(lower, zero));
            atReset.add(Statement.store(lowerMask, zero));
            otherwise.add(
                    Statement.when(
                            writesLower.read(),
                            Statement.store(
                                    lower,
                                    lower.read()
                                            .and(mask.read().not())
                                            .or(writeData.read().and(mask.read())))));
            otherwise.add(
                    Statement.when(
                            writesLower.read(),
                            Statement.store(lowerMask, lowerMask.read().or(mask.read()))));
            otherwise.add(Statement.when(writesUpper.read(), Statement.store(lowerMask, zero)));
        }
    }

    /** What is kept, of which some bits may have no use. */
    List<Expression> kept() {
        return Stream.of(upper, lower, lowerMask).filter(Objects::nonNull).map(Net::read).toList();
    }
}
