-- IEEE 1076-1993 clause 1.1.1.2: an output is connected to a signal
entity part is port (a, b : in bit; y : out bit); end;
architecture r of part is begin y <= a and b; end;
entity t is end;
architecture r of t is
  signal p, q, z : bit;
begin
  u : entity work.part port map (p, q, '0'); --! must be connected to a signal
end;
