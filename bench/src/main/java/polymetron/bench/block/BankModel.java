package polymetron.bench.block;

import java.util.HashSet;
import java.util.Set;
import java.util.function.Consumer;

/** A block whose registers are executed as they are described; what is left to its model is what the block does. */
public abstract class BankModel extends BlockModel {
    final RegisterBank bank;
    private final Set<String> raised = new HashSet<>();

    BankModel(RegisterBank bank) {
        this.bank = bank;
    }

    @Override
    protected void clear() {
        bank.clear();
        raised.clear();
    }

    /** Sets bits of a word, as the hardware would when something happens. */
    public final void raise(int offset, int bits) {
        bank.raise(offset, bits);
    }

    /** What is told of an event, by register and field, that software clears without knowing of it. */
    public final void onClearedUnread(Consumer<String> action) {
        bank.onClearedUnread(action);
    }

    /** Sets the level of one of the block's interrupt sources, whatever its registers say. */
    public final void drive(String source, boolean high) {
        if (high) {
            raised.add(source);
        } else {
            raised.remove(source);
        }
    }

    /** Software has read or written a register, and that has had its effects. */
    protected void accessed() {}

    @Override
    public final int read(int offset) {
        int value = bank.read(offset);
        accessed();
        return value;
    }

    @Override
    public final int peek(int offset) {
        return bank.peek(offset);
    }

    @Override
    public final void write(int offset, int value, int mask) {
        bank.write(offset, value, mask);
        accessed();
    }

    @Override
    public final boolean isThere(int offset) {
        return bank.isThere(offset);
    }

    @Override
    public final boolean isThere(String register) {
        return bank.isThere(register);
    }

    @Override
    public boolean interrupt(String source) {
        return raised.contains(source) || bank.interrupts(source);
    }
}
