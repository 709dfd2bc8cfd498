package zander.core.connect.script;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import zander.core.files.WireName;
import zander.core.files.sftp.channel.ServiceTranslator;

/** The answers of SFTP version 3 (draft-ietf-secsh-filexfer-02, sections 4 and 7). */
final class Messages {
  private static final int VERSION = 2;
  private static final int STATUS = 101;
  private static final int HANDLE = 102;
  private static final int DATA = 103;
  private static final int NAME = 104;
  private static final int ATTRS = 105;

  static final int OK = 0;
  static final int END = 1;
  private static final int NO_SUCH_FILE = 2;
  private static final int PERMISSION_DENIED = 3;
  static final int FAILURE = 4;
  static final int NOT_SUPPORTED = 8;

  /** Size, owner, mode and times. */
  private static final int ALL_ATTRIBUTES = 0xf;

  private static final int HEX = 16;
  private static final int FIELDS = 6;

  private Messages() {}

  private static Buffer begun(int type, int id) {
    Buffer message = new ByteArrayBuffer();
    message.putByte((byte) type);
    message.putInt(id);
    return message;
  }

  static byte[] version(List<String> extensions) {
    Buffer message = new ByteArrayBuffer();
    message.putByte((byte) VERSION);
    message.putInt(3);
    List<String> all = new ArrayList<>(extensions);
    all.add(ServiceTranslator.BY_SCRIPTS);
    for (String one : all) {
      message.putString(one);
      message.putString("1");
    }
    return message.getCompactData();
  }

  static byte[] status(int id, int code, String words) {
    Buffer message = begun(STATUS, id);
    message.putInt(code);
    message.putBytes(WireName.bytes(words));
    message.putString("");
    return message.getCompactData();
  }

  /** What a tool said in the C locale, as the status that says the same. */
  static byte[] failure(int id, String words) {
    String lower = words.toLowerCase(Locale.ROOT);
    int code = FAILURE;
    if (lower.contains("no such file") || lower.contains("nonexistent")) {
      code = NO_SUCH_FILE;
    } else if (lower.contains("permission denied") || lower.contains("not permitted")) {
      code = PERMISSION_DENIED;
    }
    return status(id, code, words.strip());
  }

  static byte[] handle(int id, byte[] handle) {
    Buffer message = begun(HANDLE, id);
    message.putBytes(handle);
    return message.getCompactData();
  }

  static byte[] data(int id, byte[] content) {
    Buffer message = begun(DATA, id);
    message.putBytes(content);
    return message.getCompactData();
  }

  static byte[] attributes(int id, String fields) {
    Buffer message = begun(ATTRS, id);
    putAttributes(message, fields);
    return message.getCompactData();
  }

  static byte[] name(int id, byte[] name) {
    return names(id, List.of(entry(name, "0 0 0 0 0 0")));
  }

  /** A name with its attributes, as they stand in an answer. */
  static byte[] entry(byte[] name, String fields) {
    Buffer entry = new ByteArrayBuffer();
    entry.putBytes(name);
    entry.putString("");
    putAttributes(entry, fields);
    return entry.getCompactData();
  }

  static byte[] names(int id, List<byte[]> entries) {
    Buffer message = begun(NAME, id);
    message.putInt(entries.size());
    entries.forEach(message::putRawBytes);
    return message.getCompactData();
  }

  /**
   * @param fields mode in hexadecimal, size, owner, group, and when accessed and modified
   * @throws IllegalArgumentException when they are not
   */
  private static void putAttributes(Buffer message, String fields) {
    String[] words = fields.strip().split(" ");
    if (words.length < FIELDS) {
      throw new IllegalArgumentException("attributes: " + fields);
    }
    message.putInt(ALL_ATTRIBUTES);
    message.putLong(Long.parseLong(words[1]));
    message.putInt(Integer.parseUnsignedInt(words[2]));
    message.putInt(Integer.parseUnsignedInt(words[3]));
    message.putInt(Integer.parseInt(words[0], HEX));
    message.putUInt(seconds(words[4]));
    message.putUInt(seconds(words[5]));
  }

  /** The protocol has 32 bits for them. */
  private static long seconds(String word) {
    return Math.min(0xffff_ffffL, Math.max(0, Long.parseLong(word)));
  }

  static String text(byte[] bytes) {
    return new String(bytes, StandardCharsets.ISO_8859_1);
  }
}
