package polymetron.bench.block;

import polymetron.bench.stream.StreamElement;
import polymetron.bench.stream.StreamNetwork;

/** A block on the bench that streams come from or go to: its time is that of the network of all streams. */
public interface StreamBlock extends StreamElement {
    /** Puts it into the network of the platform's streams. */
    void join(StreamNetwork streams);
}
