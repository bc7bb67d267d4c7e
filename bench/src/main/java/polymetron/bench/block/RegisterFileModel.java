package polymetron.bench.block;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.elaborate.Register;

/**
 * A block of which the bench only knows the registers: they do what their description says, and nothing happens by itself.
 */
public final class RegisterFileModel extends BankModel {
    private final Set<String> raised = new HashSet<>();

    /**
     * @param clockHz clock of the block in hertz, from which some values after reset follow
     */
    public RegisterFileModel(List<Register> registers, long clockHz) {
        super(new RegisterBank(registers, clockHz));
    }

    @Override
    protected void clear() {
        super.clear();
        raised.clear();
    }

    /** Sets bits of a word, as the hardware would when something happens. */
    public void raise(int offset, int bits) {
        bank.raise(offset, bits);
    }

    /** Sets the level of one of the block's interrupt sources, whatever its registers say. */
    public void drive(String source, boolean high) {
        if (high) {
            raised.add(source);
        } else {
            raised.remove(source);
        }
    }

    @Override
    public boolean interrupt(String source) {
        return raised.contains(source) || super.interrupt(source);
    }
}
