package polymetron.bench.block;

import java.util.function.Function;
import polymetron.bench.hart.DirectMemory;

/** A block that reads or writes memory by itself. */
public interface MemoryMover {
    /**
     * Puts it on its buses.
     *
     * @param memories what it finds at its addresses, by the name of its bus interface
     */
    void connect(Function<String, DirectMemory> memories);
}
