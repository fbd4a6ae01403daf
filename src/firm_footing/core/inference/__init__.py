"""How probable is each cause, given all the evidence of a case?

    evidence -> log-likelihood of every configuration -> posterior

A *set* is up to three causes at work at once; a *hypothesis* is a set with the mode (thrown or
stuck) and the severity of each cause; a *configuration* is a hypothesis with the side of its
two-sided causes. All configurations are enumerated; nothing is sampled.
"""
