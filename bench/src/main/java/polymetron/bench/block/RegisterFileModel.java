package polymetron.bench.block;

import java.util.List;
import polymetron.elaborate.Register;

/**
 * A block of which the bench only knows the registers: they do what their description says, and nothing happens by itself.
 */
public final class RegisterFileModel extends BankModel {
    /**
     * @param clockHz clock of the block in hertz, from which some values after reset follow
     */
    public RegisterFileModel(List<Register> registers, long clockHz) {
        super(new RegisterBank(registers, clockHz));
    }
}
