/**
 * A made-up POSIX file system in memory: a tree of nodes with owners, modes, times and links, and
 * the permission checks of a real one, for accounts that exist only here.
 */
package zander.standin.world;
