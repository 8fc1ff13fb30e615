-- IEEE 1076-2008 clause 16.5: ending a run.
package env is
  procedure stop;
  procedure stop (status : integer);
  procedure finish;
  procedure finish (status : integer);
  function resolution_limit return delay_length;
end package;
