// IEEE 1800-2017 clause 6.19.3: a cast makes a value of the enumeration, even one without a name
module t;
  typedef enum {A, B, C} e;
  e x;
  initial begin
    x = e'(1); $display("%s %0d", x.name(), x);
    x = e'(7); $display("[%s] %0d", x.name(), x);
  end
endmodule
//> B 1
//> [] 7
