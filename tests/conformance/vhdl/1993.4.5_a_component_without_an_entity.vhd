-- IEEE 1076-1993 clause 4.5: nothing of that name is handed in
entity t is end;
architecture a of t is
  component nobody port (x : in bit); end component;
  signal p : bit;
begin
  u : nobody port map (p); --! unbound
end;
