package zander.core.connect.script;

import zander.core.connect.command.ShellWords;

/**
 * The lines that are written to {@code sh} for each request (POSIX XCU, with {@code stat -c},
 * {@code readlink -f}, {@code xargs -0}, {@code base64} and {@code -T} of GNU and BusyBox). Each
 * prints one answer: lines that begin with {@code L} or {@code N} for entries, then one that begins
 * with 0 for success, with 1 and words for a failure, or with 2 and a value. Paths are in wire
 * form.
 */
final class FileScripts {
  private static final int PERMISSIONS = 0777;
  private static final int ALL_BITS = 07777;

  /** What is read at once, in bytes; a power of two. */
  private static final long MOST_BLOCK = 64 * 1024;

  private static final String FIELDS = "'%f %s %u %g %X %Y'";

  /**
   * Read once; what it defines is short, as a line is sent for each request: done (k), failed (x),
   * run (r), run for a value (v), a value in base64 (b), look (s) and through links (S), where a
   * link leads (l), a true path (p), open (o), create (c), append (a), read a part (d), list (t),
   * rename to a free name (n) and over another (m).
   */
  private static final String FUNCTIONS =
      """
      LC_ALL=C; export LC_ALL
      unset CDPATH
      u=$(umask)
      nl='
      '
      k() { echo 0; }
      x() { printf '1 %s\\n' "$(printf %s "$1" | tr '\\n' ' ')"; }
      why() { ls -d -- "$1" 2>&1 >/dev/null; }
      r() { if e=$("$@" 2>&1 >/dev/null </dev/null); then k; else x "$e"; fi; }
      v() { if e=$("$@" 2>&1 </dev/null); then printf '2 %s\\n' "$e"; else x "$e"; fi; }
      b() { printf '2 %s\\n' "$(base64 | tr -d '\\n')"; }
      s() { v stat -c FIELDS -- "$1"; }
      S() { v stat -L -c FIELDS -- "$1"; }
      l() {
        if [ -L "$1" ]; then readlink -n -- "$1" | b; else x "$(why "$1") not a link"; fi
      }
      p() {
        if readlink -f -- "$1" >/dev/null 2>&1; then readlink -n -f -- "$1" | b
        else e=$(why "$1"); x "${e:-No such file or directory}"; fi
      }
      o() {
        if [ -f "$3" ]; then
          if e=$( { eval ": $2\\"\\$3\\""; } 2>&1 ) &&
            eval "command exec $1$2\\"\\$3\\"" 2>/dev/null
          then k; else x "${e:-cannot be opened}"; fi
        else x "$(why "$3") not a file"; fi
      }
      c() {
        set -C; umask "$2"
        if eval "command exec $1>\\"\\$3\\"" 2>/dev/null; then e=; else e=1; fi
        umask "$u"; set +C
        if [ -z "$e" ]; then k
        elif [ -e "$3" ] || [ -L "$3" ]; then x 'File exists'
        else d=${3%/*}; e=$(why "${d:-/}/.")
          [ -n "$e" ] || [ -w "${d:-/}" ] || e='Permission denied'
          x "${e:-cannot be made}"; fi
      }
      a() {
        [ "$2" = 0 ] || dd bs=1 seek="$2" count=0 conv=notrunc 2>/dev/null >&$1
        if e=$( { printf %s "$3" | base64 -d >&$1; } 2>&1 ); then k; else x "$e"; fi
      }
      d() {
        e=$(dd if=/proc/$$/fd/$1 bs=$2 skip=$3 count=$4 2>/dev/null | head -c $5 | base64 |
          tr -d '\\n')
        if [ -n "$e" ] || [ $6 -ge "$(stat -L -c %s /proc/$$/fd/$1)" ]; then printf '2 %s\\n' "$e"
        else x 'Input/output error'; fi
      }
      t() {
        e=$(ls -a -- "$1/." 2>&1 >/dev/null)
        if [ -n "$e" ]; then x "$e"; return; fi
        (
          cd -- "$1" || exit 7
          for f in * .*; do
            case $f in .|..|*"$nl"*) ;; *) printf './%s\\0' "$f" ;; esac
          done | xargs -0 stat -c L'%f %s %u %g %X %Y %n' --
          for f in * .*; do
            case $f in *"$nl"*)
              if g=$(stat -c FIELDS -- "./$f"); then
                printf 'N%s %s\\n' "$g" "$(printf %s "$f" | base64 | tr -d '\\n')"
              fi ;;
            esac
          done
          exit 0
        ) 2>/dev/null </dev/null
        if [ $? = 7 ]; then x 'Permission denied'; else k; fi
      }
      same() {
        d=${2%/*}
        [ "$(stat -c %d -- "$1" 2>&1)" = "$(stat -c %d -- "${d:-/}/." 2>&1)" ]
      }
      n() {
        if [ -e "$2" ] || [ -L "$2" ]; then x 'File exists'
        elif ! [ -e "$1" ] && ! [ -L "$1" ]; then x "$(why "$1")"
        elif ! same "$1" "$2"; then x 'Invalid cross-device link'
        elif ln -T -- "$1" "$2" 2>/dev/null; then r rm -f -- "$1"
        else r mv -n -T -- "$1" "$2"; fi
      }
      m() { if same "$1" "$2"; then r mv -f -T -- "$1" "$2"; else n "$1" "$2"; fi; }
      for t in stat readlink xargs base64 dd head tr ls mv ln; do
        command -v $t >/dev/null || { echo; echo MARK; echo "1 there is no $t"; exit; }
      done
      echo; echo MARK
      if [ -d /proc/$$/fd ] && [ "$(printf Zg== | base64 -d)" = f ] &&
        stat -c FIELDS / >/dev/null && readlink -f / >/dev/null &&
        printf 'f\\0' | xargs -0 echo >/dev/null
      then k; else x 'its tools are too old'; fi
      """
          .replace("FIELDS", FIELDS);

  private FileScripts() {}

  /**
   * What is written first; it answers when it can be asked.
   *
   * @param mark a line that comes before the first answer
   */
  static String begin(String mark) {
    return FUNCTIONS.replace("MARK", mark);
  }

  /** The name of an open file, which leads to it whatever becomes of its path (proc(5)). */
  static String open(int number) {
    return "/proc/$$/fd/" + number;
  }

  private static String quoted(String wire) {
    return ShellWords.quoteWire(wire.startsWith("/") ? wire : "./" + wire);
  }

  static String look(String path, boolean follow) {
    return (follow ? "S " : "s ") + quoted(path);
  }

  static String lookAtOpen(int number) {
    return "S " + open(number);
  }

  static String readLink(String path) {
    return "l " + quoted(path);
  }

  static String realPath(String path) {
    return "p " + quoted(path);
  }

  static String list(String folder) {
    return "t " + quoted(folder);
  }

  static String openFile(int number, String path, boolean write) {
    return "o " + number + (write ? " '<>' " : " '<' ") + quoted(path);
  }

  /**
   * Makes a file that must not be there.
   *
   * @param mode before the account's umask; a file that is made can be run by nobody
   */
  static String create(int number, String path, int mode) {
    int mask = ~mode & PERMISSIONS;
    return "c "
        + number
        + " $(printf %o $((0$u | 0"
        + Integer.toOctalString(mask)
        + "))) "
        + quoted(path);
  }

  static String close(int number) {
    return "exec " + number + ">&-; k";
  }

  /**
   * @param skip bytes that are left out before it, from where the last ended
   * @param content in base64
   */
  static String write(int number, long skip, String content) {
    return "a " + number + " " + skip + " '" + content + "'";
  }

  /** Goes back to the front of an open file. */
  static String rewind(int number) {
    return "command exec " + number + "<>" + open(number) + "; ";
  }

  static String read(int number, long from, int length) {
    long block = from == 0 ? MOST_BLOCK : Math.min(MOST_BLOCK, Long.lowestOneBit(from));
    long blocks = (length + block - 1) / block;
    return "d "
        + number
        + " "
        + block
        + " "
        + from / block
        + " "
        + blocks
        + " "
        + length
        + " "
        + from;
  }

  static String makeFolder(String path, int mode) {
    return "r mkdir -m $(printf %o $((0"
        + Integer.toOctalString(mode & ALL_BITS)
        + " & ~0$u))) -- "
        + quoted(path);
  }

  static String removeFolder(String path) {
    return "r rmdir -- " + quoted(path);
  }

  static String removeFile(String path) {
    return "r rm -- " + quoted(path);
  }

  static String rename(String from, String to, boolean over) {
    return (over ? "m " : "n ") + quoted(from) + " " + quoted(to);
  }

  static String hardLink(String from, String to) {
    return "r ln -T -- " + quoted(from) + " " + quoted(to);
  }

  static String link(String target, String path) {
    return "r ln -s -T -- " + ShellWords.quoteWire(target) + " " + quoted(path);
  }

  /** What is written reaches the disk. */
  static String sync(int number) {
    return "r sync " + open(number);
  }

  /**
   * Sets what is wanted, in the order in which none undoes another.
   *
   * @param where quoted
   */
  static String set(String where, WantedAttributes wanted) {
    StringBuilder all = new StringBuilder(":");
    if (wanted.size() >= 0) {
      all.append(" && truncate -s ").append(wanted.size()).append(" -- ").append(where);
    }
    if (wanted.uid() != null && wanted.gid() != null) {
      // It takes the upper bits of a mode away.
      all.append(" && chown ")
          .append(Integer.toUnsignedString(wanted.uid()))
          .append(':')
          .append(Integer.toUnsignedString(wanted.gid()))
          .append(" -- ")
          .append(where);
    }
    if (wanted.mode() != null) {
      all.append(" && chmod ")
          .append(Integer.toOctalString(wanted.mode() & ALL_BITS))
          .append(" -- ")
          .append(where);
    }
    if (wanted.accessed() != null) {
      all.append(" && touch -c -a -d @").append(wanted.accessed()).append(" -- ").append(where);
      all.append(" && touch -c -m -d @").append(wanted.modified()).append(" -- ").append(where);
    }
    return "if e=$( { " + all + "; } 2>&1 >/dev/null </dev/null ); then k; else x \"$e\"; fi";
  }

  static String setByPath(String path, WantedAttributes wanted) {
    return set(quoted(path), wanted);
  }
}
