package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * Another account on the server, which owns the folder that root works in and puts links in the
 * place of it and of what is in it, back and forth, as quickly as a program can: with {@code
 * renameat2} and its exchange, so that there is never nothing at a name.
 */
final class SwappingAccount implements AutoCloseable {
  private static final String PROGRAM =
      """
      use strict;
      my ($spool, $victim, $rounds, $exchange) = @ARGV;
      my ($work, $link) = ("$spool/work", "$spool/work.evil");
      symlink($victim, $link);
      $| = 1;
      print "ready\\n";
      sub swap { syscall($exchange, -100, $_[0], -100, $_[1], 2) }
      sub nap { select(undef, undef, undef, rand(0.002)) }
      for my $round (1 .. $rounds) {
        if (rand() < 0.4) {
          swap($work, $link); nap(); swap($work, $link); nap();
          next;
        }
        my @folders = ($work, grep { -d $_ && !-l $_ } glob("$work/*"));
        my $folder = $folders[rand @folders];
        opendir(my $open, $folder) or next;
        my @names = grep { !/^\\.\\.?$/ && !/\\.evil$/ } readdir($open);
        closedir($open);
        my @fresh = grep { /\\.zander-/ } @names;
        @names = @fresh if @fresh && rand() < 0.8;
        next unless @names;
        my $name = $names[rand @names];
        my ($real, $evil) = ("$folder/$name", "$folder/$name.evil");
        my $same = "$victim/" . ($name =~ s/^\\.(.*)\\.zander-.*$/$1/r);
        symlink(rand() < 0.5 && -e $same ? $same : "$victim/secret", $evil) or next;
        swap($real, $evil); nap(); swap($real, $evil);
        if (-l $evil) { unlink($evil) } elsif (-e $evil) { unlink($real); rename($evil, $real) }
      }
      print "over\\n";
      """;

  private final Process process;
  private final BufferedReader said;

  /**
   * @param spool holds a folder {@code work}, and belongs to the account
   * @param victim where its links lead
   */
  SwappingAccount(String account, Path spool, Path victim, int rounds) throws Exception {
    Path program = Files.writeString(spool.resolve("swap.pl"), PROGRAM, UTF_8);
    String exchange = System.getProperty("os.arch").equals("aarch64") ? "276" : "316";
    process =
        new ProcessBuilder(
                List.of(
                    "runuser",
                    "-u",
                    account,
                    "--",
                    "perl",
                    program.toString(),
                    spool.toString(),
                    victim.toString(),
                    Integer.toString(rounds),
                    exchange))
            .redirectErrorStream(true)
            .start();
    said = new BufferedReader(new InputStreamReader(process.getInputStream(), UTF_8));
    String first = said.readLine();
    if (!"ready".equals(first)) {
      throw new IllegalStateException("it did not begin: " + first);
    }
  }

  boolean isOver() {
    return !process.isAlive();
  }

  @Override
  public void close() throws Exception {
    if (!process.waitFor(5, TimeUnit.MINUTES)) {
      process.destroyForcibly();
    }
    String last = said.readLine();
    if (!"over".equals(last)) {
      throw new IllegalStateException("it ended with " + last);
    }
  }
}
