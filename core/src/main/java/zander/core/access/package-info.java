/** Who can do what with a file, what stops them on the way to it, and what would let them. */
package zander.core.access;
