// IEEE 1800-2017 clause 7.2: members may be strings and real numbers
module t;
  typedef struct {
    string name;
    logic [3:0] a, b;
    real weight;
    logic [4:0] want;
  } vector_t;
  vector_t vectors[0:1] = '{ '{"zero", 0, 0, 0.5, 0}, '{name: "high tide", a: 15, b: 1, weight: 2.25, want: 16} };
  vector_t one;
  real sum = 0;
  initial begin
    foreach (vectors[i]) begin
      $display("%s (%0d letters): %0d + %0d = %0d", vectors[i].name, vectors[i].name.len(), vectors[i].a,
               vectors[i].b, vectors[i].want);
      sum += vectors[i].weight;
    end
    $display("%g", sum);
    $display("[%s] %g %b", one.name, one.weight, one.a);
    one = vectors[1];
    $display("%0d", one == vectors[1]);
    one.name = {one.name, "!"};
    $display("%s %s %0d", one.name, vectors[1].name, one == vectors[1]);
  end
endmodule
//> zero (4 letters): 0 + 0 = 0
//> high tide (9 letters): 15 + 1 = 16
//> 2.75
//> [] 0 xxxx
//> 1
//> high tide! high tide 0
