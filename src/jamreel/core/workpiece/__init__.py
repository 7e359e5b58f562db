"""What constructions are put together from: the job, the ledger, the straight wire, drawings."""
