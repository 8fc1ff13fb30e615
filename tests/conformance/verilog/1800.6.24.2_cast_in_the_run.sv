// IEEE 1800-2017 clause 6.24.2: `$cast` takes a value of an enumeration, or says that it is none
module t;
  typedef enum {A = 1, B = 3} e;
  e x = A;
  initial begin
    if ($cast(x, 3)) $display("%s", x.name());
    if (!$cast(x, 2)) $display("still %s", x.name());
    $cast(x, 1);
    $display("%s", x.name());
    $cast(x, 7);
    $display("%s", x.name());
  end
endmodule
//> B
//> still B
//> A
//> error: `$cast`: the target has no such value
//> A
