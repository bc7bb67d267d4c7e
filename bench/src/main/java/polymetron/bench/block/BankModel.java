package polymetron.bench.block;

/** A block whose registers are executed as they are described; what is left to its model is what the block does. */
abstract class BankModel extends BlockModel {
    protected final RegisterBank bank;

    BankModel(RegisterBank bank) {
        this.bank = bank;
    }

    @Override
    protected void clear() {
        bank.clear();
    }

    @Override
    public final int read(int offset) {
        return bank.read(offset);
    }

    @Override
    public final int peek(int offset) {
        return bank.peek(offset);
    }

    @Override
    public final void write(int offset, int value, int mask) {
        bank.write(offset, value, mask);
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
        return bank.interrupts(source);
    }
}
