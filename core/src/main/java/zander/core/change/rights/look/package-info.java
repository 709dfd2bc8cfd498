/** What is there in trees, and whose: looked through for a plan, and for what is too wide. */
package zander.core.change.rights.look;
