package polymetron.bench.block;

/** A block whose registers are executed as they are described; what is left to its model is what the block does. */
abstract class BankModel extends BlockModel implements RegisterBank.Behaviour {
    protected final RegisterBank bank;

    BankModel(RegisterBank bank) {
        this.bank = bank;
        bank.behave(this);
    }

    @Override
    protected void clear() {
        bank.clear();
    }

    @Override
    public int read(int offset) {
        return bank.read(offset);
    }

    @Override
    public int peek(int offset) {
        return bank.peek(offset);
    }

    @Override
    public void write(int offset, int value, int mask) {
        bank.write(offset, value, mask);
    }

    @Override
    public boolean isThere(String register) {
        return bank.isThere(register);
    }

    @Override
    public boolean interrupt(String source) {
        return bank.interrupts(source);
    }
}
