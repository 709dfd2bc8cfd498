/** Threads that must not wait, and work that can be stopped. */
package zander.core.work;
