package zander.standin.world;

import java.time.Clock;

/**
 * One made-up server: its files and its accounts.
 *
 * @param name the host name it prints at prompts
 */
public record Machine(String name, World world, Accounts accounts, Clock clock) {}
