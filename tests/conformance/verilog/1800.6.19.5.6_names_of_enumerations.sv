// IEEE 1800-2017 clause 6.19.5.6: the name of a value, nothing for what is none
module t;
  typedef enum logic [1:0] {IDLE, FILL, OPEN} s_t;
  s_t s = FILL;
  string k;
  initial begin
    $display("%s [%s]", s.name(), s.name);
    k = {"in ", s.name()};
    $display("%s", k);
    s = s_t'(3);
    $display("[%s]", s.name());
  end
endmodule
//> FILL [FILL]
//> in FILL
//> []
