package polymetron.bench.block;

import polymetron.bench.stream.StreamNetwork;

/**
 * A block with registers that streams come from or go to. Its time is that of the network of all streams: what software reads has
 * happened until then, and what it writes counts from the next edge on.
 */
public abstract class StreamModel extends BankModel implements StreamBlock {
    private StreamNetwork network;

    StreamModel(RegisterBank bank) {
        super(bank);
    }

    @Override
    public final void join(StreamNetwork streams) {
        network = streams;
    }

    @Override
    protected final void clear() {
        super.clear();
        resetStream();
    }

    @Override
    protected final void run() {
        if (network != null) {
            network.advance(processorNow());
        }
    }

    @Override
    protected final void accessed() {
        if (network != null) {
            network.look();
        }
    }
}
