-- IEEE 1076-1993 clause 3.1.3: a number and a unit
entity t is end;
architecture a of t is
begin
  process begin
    wait for 1.5 us;
    report time'image(now);
    wait;
  end process;
end;
--> note: 1500000000 fs
