-- IEEE 1076-1993 clause 13.8: and nothing nests in them
entity t is end; -- a comment -- with dashes
architecture a of t is
begin
  process begin
    report "here"; -- report "not here";
    wait;
  end process;
end;
--> note: here
