int run_tests(int argc, char** argv); // support/catch.cpp

int main(int argc, char** argv) {
    return run_tests(argc, argv);
}
