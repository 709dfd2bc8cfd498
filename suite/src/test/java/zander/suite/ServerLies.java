package zander.suite;

import static java.nio.charset.StandardCharsets.US_ASCII;
import static zander.suite.LyingServer.ANY;
import static zander.suite.LyingServer.ATTRS;
import static zander.suite.LyingServer.DATA;
import static zander.suite.LyingServer.EXTENDED;
import static zander.suite.LyingServer.FSTAT;
import static zander.suite.LyingServer.HANDLE;
import static zander.suite.LyingServer.INIT;
import static zander.suite.LyingServer.LSTAT;
import static zander.suite.LyingServer.NAME;
import static zander.suite.LyingServer.OPEN;
import static zander.suite.LyingServer.OPENDIR;
import static zander.suite.LyingServer.READ;
import static zander.suite.LyingServer.READDIR;
import static zander.suite.LyingServer.READLINK;
import static zander.suite.LyingServer.REALPATH;
import static zander.suite.LyingServer.STAT;
import static zander.suite.LyingServer.VERSION;
import static zander.suite.LyingServer.message;
import static zander.suite.LyingServer.named;
import static zander.suite.LyingServer.status;
import static zander.suite.LyingServer.string;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import zander.suite.LyingServer.Lie;

/** What a server can say to the requests of the file service that it should not, by what it is. */
final class ServerLies {
  static final String LONG = "x".repeat(3 << 20);

  /**
   * @param to the type of the requests
   */
  record Told(int to, Lie lie) {}

  private ServerLies() {}

  /** What is said, by what it is. */
  static Map<String, Told> all() {
    Map<String, Told> lies = new LinkedHashMap<>();
    for (int type : new int[] {LSTAT, OPEN, OPENDIR, READ, READDIR, REALPATH, STAT}) {
      String to = " to request " + type;
      lies.put("an answer of no bytes" + to, new Told(type, (id, out) -> out.writeInt(0)));
      lies.put(
          "an answer of 4 GB" + to,
          new Told(
              type,
              (id, out) -> {
                out.writeInt(-1);
                out.write(new byte[1 << 16]);
              }));
      lies.put(
          "an answer of another kind" + to,
          new Told(type, (id, out) -> message(217, id, body -> {}).writeTo(out)));
      lies.put(
          "an answer cut short" + to,
          new Told(
              type,
              (id, out) ->
                  message(type == READ ? DATA : NAME, id, body -> body.writeShort(7))
                      .writeTo(out)));
      lies.put(
          "a status without a number" + to,
          new Told(type, (id, out) -> message(LyingServer.STATUS, id, body -> {}).writeTo(out)));
      lies.put(
          "a failure of 3 MB" + to, new Told(type, (id, out) -> status(id, 4, LONG).writeTo(out)));
      lies.put(
          "a number of a failure that there is not" + to,
          new Told(type, (id, out) -> status(id, 4711, "\u001b[2J").writeTo(out)));
      lies.put(
          "success where something was asked for" + to,
          new Told(type, (id, out) -> status(id, 0, "").writeTo(out)));
      lies.put(
          "a thousand answers to others, then a failure" + to,
          new Told(
              type,
              (id, out) -> {
                for (int i = 0; i < 1000; i++) {
                  status(id + 100_000 + i, 0, "").writeTo(out);
                }
                status(id, 4, "").writeTo(out);
              }));
      lies.put(
          "nothing more, and the end" + to,
          new Told(
              type,
              (id, out) -> {
                throw new IOException("hangs up");
              }));
    }
    lies.put(
        "a handle of nothing",
        new Told(OPEN, (id, out) -> message(HANDLE, id, body -> string(body, "")).writeTo(out)));
    lies.put(
        "a handle of 3 MB",
        new Told(
            OPENDIR, (id, out) -> message(HANDLE, id, body -> string(body, LONG)).writeTo(out)));
    lies.put(
        "a listing without end",
        new Told(READDIR, (id, out) -> named(id, "level-" + id + "-", 0100644, 3000).writeTo(out)));
    lies.put(
        "the same name without end",
        new Told(READDIR, (id, out) -> named(id, "level", 0100644, 1).writeTo(out)));
    lies.put(
        "nothing listed, without end",
        new Told(READDIR, (id, out) -> named(id, "", 0100644, 0).writeTo(out)));
    lies.put(
        "two thousand million names",
        new Told(
            READDIR,
            (id, out) -> message(NAME, id, body -> body.writeInt(Integer.MAX_VALUE)).writeTo(out)));
    lies.put(
        "less than no names",
        new Told(READDIR, (id, out) -> message(NAME, id, body -> body.writeInt(-3)).writeTo(out)));
    lies.put(
        "names of 3 MB", new Told(READDIR, (id, out) -> named(id, LONG, 0100644, 1).writeTo(out)));
    for (String name : List.of("../../etc/passwd", "/etc/passwd", "..", "a\0b", "", "a/b")) {
      lies.put(
          "the name " + name.replace('\0', '0'),
          new Told(READDIR, (id, out) -> named(id, name, 0100644, 1).writeTo(out)));
      lies.put(
          "home at " + name.replace('\0', '0'),
          new Told(REALPATH, (id, out) -> named(id, name, 040755, 1).writeTo(out)));
    }
    lies.put(
        "two homes", new Told(REALPATH, (id, out) -> named(id, "/home/", 040755, 2).writeTo(out)));
    lies.put(
        "a home of 3 MB",
        new Told(REALPATH, (id, out) -> named(id, "/" + LONG, 040755, 1).writeTo(out)));
    lies.put(
        "a link's target of 3 MB",
        new Told(READLINK, (id, out) -> named(id, LONG, 0120777, 1).writeTo(out)));
    lies.put(
        "everything is a link",
        new Told(
            LSTAT,
            (id, out) ->
                message(ATTRS, id, body -> LyingServer.attributes(body, 0120777)).writeTo(out)));
    for (int type : new int[] {LSTAT, STAT, FSTAT}) {
      lies.put(
          "attributes with a thousand million more, to request " + type,
          new Told(
              type,
              (id, out) ->
                  message(
                          ATTRS,
                          id,
                          body -> {
                            body.writeInt(0x80000000);
                            body.writeInt(1_000_000_000);
                          })
                      .writeTo(out)));
      lies.put(
          "a size of less than nothing, to request " + type,
          new Told(
              type,
              (id, out) ->
                  message(
                          ATTRS,
                          id,
                          body -> {
                            body.writeInt(0x5);
                            body.writeLong(Long.MIN_VALUE);
                            body.writeInt(0100644);
                          })
                      .writeTo(out)));
      lies.put(
          "a size of all there is, to request " + type,
          new Told(
              type,
              (id, out) ->
                  message(
                          ATTRS,
                          id,
                          body -> {
                            body.writeInt(0x5);
                            body.writeLong(Long.MAX_VALUE);
                            body.writeInt(0100644);
                          })
                      .writeTo(out)));
    }
    lies.put(
        "a file without end",
        new Told(
            READ,
            (id, out) ->
                message(DATA, id, body -> string(body, "x".repeat(32 * 1024))).writeTo(out)));
    lies.put(
        "more than was asked for",
        new Told(READ, (id, out) -> message(DATA, id, body -> string(body, LONG)).writeTo(out)));
    lies.put(
        "a length beyond the answer",
        new Told(
            READ, (id, out) -> message(DATA, id, body -> body.writeInt(1 << 30)).writeTo(out)));
    lies.put(
        "content of less than nothing",
        new Told(READ, (id, out) -> message(DATA, id, body -> body.writeInt(-5)).writeTo(out)));
    lies.put(
        "nothing read, without end",
        new Told(READ, (id, out) -> message(DATA, id, body -> string(body, "")).writeTo(out)));
    lies.put(
        "another version",
        new Told(INIT, (id, out) -> message(VERSION, body -> body.writeInt(6)).writeTo(out)));
    lies.put(
        "a version in pieces",
        new Told(INIT, (id, out) -> message(VERSION, body -> body.writeShort(3)).writeTo(out)));
    lies.put(
        "a million abilities",
        new Told(
            INIT,
            (id, out) ->
                message(
                        VERSION,
                        body -> {
                          body.writeInt(3);
                          for (int i = 0; i < 100_000; i++) {
                            string(body, "ability-" + i);
                            string(body, "1");
                          }
                        })
                    .writeTo(out)));
    lies.put(
        "words without end before the service",
        new Told(
            INIT,
            (id, out) -> {
              while (true) {
                out.write("The weir is closed today.\r\n".getBytes(US_ASCII));
              }
            }));
    lies.put(
        "abilities that it does not have",
        new Told(EXTENDED, (id, out) -> status(id, 8, "").writeTo(out)));
    lies.put(
        "noise to everything",
        new Told(ANY, (id, out) -> out.write(LONG.substring(0, 4096).getBytes(US_ASCII))));
    return lies;
  }
}
