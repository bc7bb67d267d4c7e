package polymetron.server.guard;

import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;

/** A request whose body ends with an error when it is longer than allowed, whatever length it claimed. */
final class LimitedRequest extends HttpServletRequestWrapper {
    private final long limit;

    LimitedRequest(HttpServletRequest request, long limit) {
        super(request);
        this.limit = limit;
    }

    @Override
    public ServletInputStream getInputStream() throws IOException {
        ServletInputStream body = super.getInputStream();
        return new ServletInputStream() {
            private long left = limit;

            @Override
            public int read() throws IOException {
                int value = body.read();
                count(value < 0 ? 0 : 1);
                return value;
            }

            @Override
            public int read(byte[] buffer, int offset, int length) throws IOException {
                int read = body.read(buffer, offset, length);
                count(Math.max(read, 0));
                return read;
            }

            private void count(int read) {
                left -= read;
                if (left < 0) {
                    throw new BodyTooLarge(limit);
                }
            }

            @Override
            public boolean isFinished() {
                return body.isFinished();
            }

            @Override
            public boolean isReady() {
                return body.isReady();
            }

            @Override
            public void setReadListener(ReadListener listener) {
                body.setReadListener(listener);
            }
        };
    }

    @Override
    public BufferedReader getReader() throws IOException {
        return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
    }
}
